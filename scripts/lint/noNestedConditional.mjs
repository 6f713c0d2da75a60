// ESLint rule: no conditional expression inside another, in scripts and in templates alike.

const isNested = node => {
  let at = node.parent
  while (at && at.type.startsWith('TS')) at = at.parent // a cast around it changes nothing
  return at?.type === 'ConditionalExpression'
}

export const noNestedConditional = {
  meta: {
    type: 'suggestion',
    schema: [],
    messages: {
      nested:
        'A conditional inside another is hard to read: give the decision a name, with one line for each case.',
    },
  },
  create(context) {
    const check = node => {
      if (isNested(node)) context.report({ node, messageId: 'nested' })
    }
    const visitor = { ConditionalExpression: check }
    const services = context.sourceCode.parserServices
    return services?.defineTemplateBodyVisitor
      ? services.defineTemplateBodyVisitor(visitor, visitor)
      : visitor
  },
}
