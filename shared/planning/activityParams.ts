import { z } from 'zod'

export const ActivityParams = z.object({ activityId: z.uuid() })
