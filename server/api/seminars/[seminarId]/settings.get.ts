import { requireInstructor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { settingsView } from '#server/services/people/seminars'
import { SettingsView } from '#shared/people/settings'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: SettingsView }, async ({ event, db, params }) =>
  settingsView(db, await requireInstructor(event, db, params.seminarId)),
)
