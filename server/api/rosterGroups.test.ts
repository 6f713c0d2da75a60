import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { email, testWorld, type World } from '#server/testing/world'
import type { GroupsView } from '#shared/people/groups'
import type { RosterAnswer, RosterPreview } from '#shared/people/people'

const key = () => v7()
const base64 = (text: string) => Buffer.from(text).toString('base64')

describe('a column of groups in a roster', () => {
  let world: World
  let ines: Client
  let base: string
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
    base = `/api/seminars/${world.seminar.id}`
  })
  afterAll(() => world.close())

  it('puts people into the groups of a column, the new ones too, and moves nobody the file does not name', async () => {
    const csv = (rows: string) => `e-mail,name,Team\n${rows}\n`
    const write = (rows: string) => ({
      name: 'r.csv',
      base64: base64(csv(rows)),
      key: key(),
      withdrawMissing: false,
      invite: false,
    })
    const preview = async (rows: string) =>
      (await ines.json<RosterPreview>('POST', `${base}/roster/preview`, write(rows))).body.groups
    const teams = async () => {
      const { plans } = (await ines.json<GroupsView>('GET', `${base}/groups`)).body
      const names = new Map((await world.db.select().from(t.enrolments)).map(e => [e.id, e.givenName]))
      const groups = plans.find(p => p.title === 'Team')!.groups
      return Object.fromEntries(groups.map(g => [g.title, g.memberIds.map(id => names.get(id)).sort()]))
    }
    const rows = [
      `${email('liv')},Liv Brandt,Dredge`,
      `${email('nico')},Nico Corvo,Quay`,
      'team@x.example,Tea Mer,Quay',
    ]
    expect(await preview(rows.join('\n'))).toEqual({
      plan: 'Team',
      isNew: true,
      newGroups: ['Dredge', 'Quay'],
      placed: 3,
      onlyPlaced: 2, // the third is counted among those who are added
    })
    const first = await ines.json<RosterAnswer>('POST', `${base}/roster`, write(rows.join('\n')))
    expect(first.body).toMatchObject({ added: 1, placed: 3 })
    expect(await teams()).toEqual({ Dredge: ['Liv'], Quay: ['Nico', 'Tea'] })
    // again: one moves, one has no group in the file, a group is new
    const again = [`${email('liv')},Liv Brandt,`, `${email('nico')},Nico Corvo,Toll`]
    expect(await preview(again.join('\n'))).toMatchObject({ isNew: false, newGroups: ['Toll'], placed: 1 })
    const second = await ines.json<RosterAnswer>('POST', `${base}/roster`, write(again.join('\n')))
    expect(second.body).toMatchObject({ added: 0, placed: 1 })
    expect(await teams()).toEqual({ Dredge: ['Liv'], Quay: ['Tea'], Toll: ['Nico'] })
    expect(await preview(again.join('\n'))).toMatchObject({ placed: 0 })
  })
})
