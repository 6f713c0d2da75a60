import { createTransport, type Transporter } from 'nodemailer'

/** Whether mail stays in the mailroom that ships with Jovrel: so it is while no mail server is set. */
export const isMailroom = (): boolean => !process.env.SMTP_URL

let mailroomPort: number | null = null
let transport: Transporter | null = null

/** Where this process's mailroom listens; mail goes there over SMTP like to any other server. */
export function useMailroom(port: number): void {
  mailroomPort = port
  transport = null
}

export interface OutgoingMail {
  readonly id: string
  readonly to: string
  readonly subject: string
  readonly text: string
}

/** Hands a mail to the mail server. Throws what the server says. The message id is the mail's own, so that one sent twice can be told. */
export async function handOver(mail: OutgoingMail): Promise<void> {
  const url =
    process.env.SMTP_URL ?? (mailroomPort ? `smtp://127.0.0.1:${mailroomPort}?ignoreTLS=true` : null)
  if (!url) throw new Error('There is no mail server yet: the mailroom has not started.')
  // a server that says nothing holds the next mail up no longer than this
  transport ??= createTransport({
    url,
    connectionTimeout: 20_000,
    greetingTimeout: 20_000,
    socketTimeout: 60_000,
  })
  await transport.sendMail({
    from: process.env.MAIL_FROM ?? 'Jovrel <jovrel@localhost>',
    to: mail.to,
    subject: mail.subject,
    text: mail.text,
    messageId: `<${mail.id}@jovrel>`,
  })
}

/** Whether the server will never take this mail (a permanent answer, 5xx), as opposed to not now. */
export const isRefusal = (error: unknown): boolean => {
  const code = (error as { responseCode?: unknown }).responseCode
  return typeof code === 'number' && code >= 500
}

/** Address at which people reach this installation, for links in mails. */
export const ownAddress = (): string =>
  process.env.JOVREL_ADDRESS ?? `http://127.0.0.1:${process.env.NITRO_PORT ?? '3000'}`
