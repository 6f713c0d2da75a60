import { logError } from '#server/log'
import { SMTPServer } from 'smtp-server'
import { desc } from 'drizzle-orm'
import type { Database, Db } from '#server/database/client'
import { mailroomMessages } from '#server/database/schema'
import type { Mailroom } from '#shared/messaging/notices'

const MOST_SHOWN = 200

/** The mailroom: a real SMTP server on loopback that takes everything in and keeps it where its page can show it. */
export async function startMailroom(
  db: Database,
): Promise<{ readonly port: number; readonly stop: () => Promise<void> }> {
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    disableReverseLookup: true,
    hideSTARTTLS: true,
    onData(stream, session, done) {
      // a server that starts does not wait for it
      import('mailparser')
        .then(({ simpleParser }) => simpleParser(stream))
        .then(mail =>
          db.insert(mailroomMessages).values({
            from: mail.from?.text ?? '',
            to: session.envelope.rcptTo.map(r => r.address),
            subject: mail.subject ?? '',
            text: mail.text ?? '',
          }),
        )
        .then(
          () => done(),
          (error: Error) => done(error),
        )
    },
  })
  server.on('error', error => logError('mailroom', error))
  await new Promise<void>((resolve, reject) => {
    server.server.once('error', reject)
    server.listen(0, '127.0.0.1', resolve)
  })
  const address = server.server.address()
  if (address === null || typeof address === 'string') throw new Error('The mailroom has no port.')
  return { port: address.port, stop: () => new Promise(resolve => server.close(() => resolve())) }
}

/** What has come in, newest first. */
export async function mailroomMessagesNow(db: Db): Promise<Mailroom> {
  const rows = await db
    .select()
    .from(mailroomMessages)
    .orderBy(desc(mailroomMessages.receivedAt), desc(mailroomMessages.id))
    .limit(MOST_SHOWN)
  return {
    messages: rows.map(m => ({
      id: m.id,
      from: m.from,
      to: [...m.to],
      subject: m.subject,
      text: m.text,
      receivedAt: m.receivedAt.toISOString(),
    })),
  }
}
