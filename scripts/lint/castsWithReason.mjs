// ESLint rule: a cast that switches the type checker off says why, in a comment on its line, before it, or before its statement.

/** `as never`, `as any`, and `as unknown as …`: casts behind which any mistake can hide. */
function switchesCheckingOff(node) {
  const { type } = node.typeAnnotation
  if (type === 'TSNeverKeyword' || type === 'TSAnyKeyword') return true
  return (
    node.expression.type === 'TSAsExpression' && node.expression.typeAnnotation.type === 'TSUnknownKeyword'
  )
}

export const castsWithReason = {
  meta: {
    type: 'problem',
    schema: [],
    messages: {
      reason: 'This cast switches the type checker off: a comment beside it must say why that is safe.',
    },
  },
  create(context) {
    const source = context.sourceCode
    const commentLines = new Set()
    const commented = () => {
      if (commentLines.size === 0)
        for (const { loc } of source.getAllComments())
          for (let line = loc.start.line; line <= loc.end.line; line++) commentLines.add(line)
      return commentLines
    }
    const statementOf = node => {
      let at = node
      while (at.parent && !/(Statement|Declaration|PropertyDefinition|MethodDefinition)$/.test(at.type))
        at = at.parent
      return at
    }
    const check = node => {
      if (!switchesCheckingOff(node)) return
      const { start, end } = node.loc
      const lines = [start.line - 1, start.line, end.line, statementOf(node).loc.start.line - 1]
      if (!lines.some(line => commented().has(line))) context.report({ node, messageId: 'reason' })
    }
    const services = source.parserServices
    // casts in templates are found by the Vue parser's own walk
    return services?.defineTemplateBodyVisitor
      ? services.defineTemplateBodyVisitor({ TSAsExpression: check }, { TSAsExpression: check })
      : { TSAsExpression: check }
  },
}
