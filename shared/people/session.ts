import { z } from 'zod'

export const SignIn = z.object({
  email: z.string().trim().toLowerCase().min(1, 'Write your e-mail address.').max(254),
  password: z.string().min(1, 'Write your password.').max(200),
})

export const SessionView = z.object({
  person: z.object({
    id: z.uuid(),
    name: z.string(),
    givenName: z.string(),
    initials: z.string(),
    foundsSeminars: z.boolean(),
    mailroom: z.boolean(),
    readsAccessLog: z.boolean(), // owner of the installation
  }),
  seminars: z.array(
    z.object({
      id: z.uuid(),
      title: z.string(),
      code: z.string(),
      role: z.enum(['instructor', 'assistant', 'student', 'observer']),
      archived: z.boolean(),
    }),
  ),
})
export type SessionView = z.infer<typeof SessionView>

export const SessionAnswer = z.object({ session: SessionView.nullable() })
/** Signed in, or, where a second step is set up, asked for it first: a code, or a passkey. */
export const SignInAnswer = z.object({
  session: SessionView.nullable(),
  needsCode: z.boolean(),
  hasPasskey: z.boolean(), // false also for whoever is not asked
})

/** People the sign-in page offers in demo mode. */
export const DemoPeople = z.object({
  people: z.array(z.object({ id: z.uuid(), name: z.string(), role: z.string(), reason: z.string() })),
})
export const DemoSignIn = z.object({ personId: z.uuid() })
