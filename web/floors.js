/** A rule for the floors of the source: what lies below knows nothing of what lies above, and no bench another. */
import path from 'node:path'

// From the ground up; the files of a floor may import from their own and from those before it.
const FLOORS = ['api', 'theme', 'scene', 'kit', 'project', 'benches', 'app']

const root = path.join(import.meta.dirname, 'src')

/** The floor and the bench a file is on; undefined for the entrance. */
function whereIs(file) {
  const [floor, bench] = path.relative(root, file).split(path.sep)
  const height = FLOORS.indexOf(floor)
  return height < 0 ? undefined : { floor, height, bench: floor === 'benches' ? bench : '' }
}

const rule = {
  meta: { type: 'problem', schema: [] },
  create(context) {
    const here = whereIs(context.filename)
    const check = (node) => {
      const target = node.source?.value
      if (!here || typeof target !== 'string' || !target.startsWith('.')) return
      const there = whereIs(path.resolve(path.dirname(context.filename), target))
      if (!there) return
      if (there.height > here.height)
        context.report({
          node,
          message: `${here.floor} lies below ${there.floor} and must not import from it.`,
        })
      else if (there.bench && there.bench !== here.bench && here.floor === 'benches')
        context.report({
          node,
          message: `The ${here.bench} bench must not import from the ${there.bench} bench.`,
        })
    }
    return {
      ImportDeclaration: check,
      ImportExpression: check,
      ExportNamedDeclaration: check,
      ExportAllDeclaration: check,
    }
  },
}

export default { rules: { floors: rule } }
