import { ESLintUtils } from '@typescript-eslint/utils'

/**
 * What reads the letters of a string. `concat` and templates make new ids of old ones, which is how parts are
 * named.
 */
const READERS = new Set(
  `at charAt charCodeAt codePointAt endsWith includes indexOf lastIndexOf localeCompare match matchAll padEnd padStart
  replace replaceAll search slice split startsWith substring substr toLowerCase toUpperCase trim trimEnd trimStart`.split(
    /\s+/,
  ),
)

/**
 * Ids of a frame's parts and of wood are names: what a part is stands in its fields. This bars string
 * methods, regular expressions and `length` on every type that core brands as an id.
 */
export const noReadingOfIds = ESLintUtils.RuleCreator.withoutDocs({
  meta: {
    type: 'problem',
    schema: [],
    messages: { read: 'An id is a name: ask the part what it is, and not its id ({{method}}).' },
  },
  defaultOptions: [],
  create(context) {
    const services = ESLintUtils.getParserServices(context)
    const isId = (node) => {
      const type = services.getTypeAtLocation(node)
      const parts = type.isUnion() ? type.types : [type]
      return parts.some((part) => part.isIntersection() && part.getProperties().some(isBrand))
    }
    const report = (node, method) => context.report({ node, messageId: 'read', data: { method } })
    return {
      MemberExpression(node) {
        if (node.computed && !isLiteralName(node.property)) {
          if (isId(node.object)) report(node, 'a letter of it')
          return
        }
        const name = node.computed ? node.property.value : node.property.name
        if ((READERS.has(name) || name === 'length') && isId(node.object)) report(node, name)
      },
      CallExpression({ callee, arguments: given }) {
        const isTest =
          callee.type === 'MemberExpression' && ['test', 'exec'].includes(callee.property.name ?? '')
        if (isTest && given[0] && isId(given[0])) report(given[0], 'a regular expression')
      },
    }
  },
})

const isLiteralName = (node) => node.type === 'Literal' && typeof node.value === 'string'
/** Core brands its ids by a property of a unique symbol, which the compiler names after it. */
const isBrand = (property) => property.escapedName.startsWith('__@partOf')
