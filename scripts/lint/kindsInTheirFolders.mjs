// ESLint rule: a kind of activity is compared with a literal in its own folder only. Elsewhere one asks its definition.
import { readFileSync } from 'node:fs'

const list = readFileSync(new URL('../../core/kinds/kind.ts', import.meta.url), 'utf8')
  .split('ACTIVITY_KINDS = [')[1]
  .split(']')[0]
/** Names of the kinds there are, as the core lists them. */
export const KIND_NAMES = new Set([...list.matchAll(/'(\w+)'/g)].map(m => m[1]))

const isKindName = node => node?.type === 'Literal' && KIND_NAMES.has(node.value)

/** Whether something is the kind of a thing: `kind`, `activity.kind`, `body.value.kind`. */
function isKind(node) {
  if (node?.type === 'ChainExpression' || node?.type?.startsWith('TS')) return isKind(node.expression)
  if (node?.type === 'Identifier') return node.name === 'kind'
  return node?.type === 'MemberExpression' && !node.computed && node.property.name === 'kind'
}

/** Whether it is the kind of an activity: `activity.kind`, `kind`; a notice, a note and a rule have kinds of their own. */
const OTHERS = /^(notice|note|rule|item|event|part|block|row|r|n)$/
function isOfOther(node) {
  const inner = node?.type === 'ChainExpression' ? node.expression : node
  const of = inner?.type === 'MemberExpression' ? inner.object : null
  const name = of?.type === 'MemberExpression' ? of.property.name : of?.name
  return name !== undefined && OTHERS.test(name)
}

export const kindsInTheirFolders = {
  meta: {
    type: 'problem',
    schema: [],
    messages: {
      compared:
        'Outside kinds/ no kind is compared with a literal: ask its definition (#core/kinds), its hooks, or add what is asked to them.',
    },
  },
  create(context) {
    const report = node => context.report({ node, messageId: 'compared' })
    const pair = (node, a, b) => {
      if ((isKind(a) && isKindName(b) && !isOfOther(a)) || (isKind(b) && isKindName(a) && !isOfOther(b)))
        report(node)
    }
    const visitor = {
      BinaryExpression(node) {
        if (/^[!=]==?$/.test(node.operator)) pair(node, node.left, node.right)
      },
      SwitchStatement(node) {
        for (const { test } of node.cases) pair(node, node.discriminant, test)
      },
      CallExpression(node) {
        const { callee, arguments: given } = node
        if (/^(eq|ne)$/.test(callee.name)) pair(node, given[0], given[1])
        const listed = callee.type === 'MemberExpression' && callee.object.type === 'ArrayExpression'
        if (listed) for (const element of callee.object.elements) pair(node, given[0], element)
        if (/^(inArray|notInArray)$/.test(callee.name) && given[1]?.type === 'ArrayExpression')
          for (const element of given[1].elements) pair(node, given[0], element)
      },
    }
    const services = context.sourceCode.parserServices
    return services?.defineTemplateBodyVisitor
      ? services.defineTemplateBodyVisitor(visitor, visitor)
      : visitor
  },
}
