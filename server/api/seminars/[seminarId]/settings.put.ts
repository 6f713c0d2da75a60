import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { writeSettings } from '#server/services/people/seminars'
import { SettingsView, SettingsWrite } from '#shared/people/settings'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: SettingsWrite, answer: SettingsView },
  async ({ event, db, params, body, now }) =>
    writeSettings(db, await requireManager(event, db, params.seminarId), body, now),
)
