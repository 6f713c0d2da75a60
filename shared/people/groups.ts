import { z } from 'zod'

export const GroupPlanParams = z.object({ seminarId: z.uuid(), planId: z.uuid() })
const ids = z.array(z.uuid()).max(500)
const sets = z.array(ids).max(100)
export const GroupRulesBody = z.object({
  by: z.enum(['number', 'size', 'hand']),
  count: z.number().int().min(1, 'One group or more.').max(500),
  upTo: z.number().int().min(1).max(500).nullish(), // by size: people in the largest, where sizes are a range
  together: sets,
  apart: sets,
  mixSections: z.boolean(),
  seed: z.number().int(),
})
export const GroupPlanMake = z.object({
  key: z.uuid(),
  title: z.string().trim().min(1, 'Write what this plan is for.').max(120),
  rules: GroupRulesBody,
  topics: z.array(z.string().trim().min(1).max(120)).max(500), // dealt out in order; each group takes its topic's name
  selfJoin: z.boolean(),
  most: z.number().int().min(1).max(500).nullable(),
})
export type GroupPlanMake = z.infer<typeof GroupPlanMake>
export const GroupPlanWrite = z.object({
  key: z.uuid(),
  baseVersion: z.number().int(),
  title: z.string().trim().min(1, 'Write what this plan is for.').max(120),
  selfJoin: z.boolean(),
  most: z.number().int().min(1).max(500).nullable(),
  rules: z.object({ together: sets, apart: sets }).optional(), // left out: as they are
  groups: z
    .array(
      z.object({
        id: z.uuid(),
        title: z.string().trim().min(1, 'Give every group a name.').max(120),
        memberIds: z.array(z.uuid()).max(2000),
      }),
    )
    .min(1, 'A plan has one group or more.')
    .max(500),
})
export type GroupPlanWrite = z.infer<typeof GroupPlanWrite>
export const GroupDeal = z.object({ key: z.uuid(), baseVersion: z.number().int(), rules: GroupRulesBody })
export const OwnGroupWrite = z.object({ groupId: z.uuid().nullable() })

export const GroupPerson = z.object({
  id: z.uuid(),
  name: z.string(),
  givenName: z.string(),
  familyName: z.string(),
  initials: z.string(),
  sectionId: z.uuid().nullable(),
})
export type GroupPerson = z.infer<typeof GroupPerson>
export const GroupPlanView = z.object({
  id: z.uuid(),
  title: z.string(),
  version: z.number().int(),
  rules: GroupRulesBody,
  selfJoin: z.boolean(),
  most: z.number().int().nullable(),
  groups: z.array(z.object({ id: z.uuid(), title: z.string(), memberIds: z.array(z.uuid()) })),
  usedBy: z.array(z.object({ id: z.uuid(), title: z.string() })), // activities for this plan's groups
  // what members have written in those
  work: z.array(z.object({ enrolmentId: z.uuid(), activity: z.string(), contributions: z.number().int() })),
})
export type GroupPlanView = z.infer<typeof GroupPlanView>
export const GroupsView = z.object({
  plans: z.array(GroupPlanView),
  people: z.array(GroupPerson),
  sections: z.array(z.object({ id: z.uuid(), title: z.string() })),
  mayManage: z.boolean(),
  me: z.uuid(),
})
export type GroupsView = z.infer<typeof GroupsView>
