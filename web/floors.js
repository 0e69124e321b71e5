/** A rule for the floors of the source: what lies below knows nothing of what lies above, and no bench another. */
import fs from 'node:fs'
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

// What a file imports when it is read; what it fetches later (`import()`) makes no circle.
const IMPORTS = /^(?:import|export)\b[^'"]*?['"](\.[^'"]+)['"]/gm
const known = new Map()

function importsOf(file) {
  if (!known.has(file)) {
    const found = [...fs.readFileSync(file, 'utf8').matchAll(IMPORTS)].map(([, target]) => {
      const place = path.resolve(path.dirname(file), target)
      return ['.ts', '.tsx', '/index.ts'].map((end) => place + end).find((each) => fs.existsSync(each))
    })
    known.set(file, found.filter(Boolean))
  }
  return known.get(file)
}

/** The shortest way from a file's imports back to it, as names of files; undefined when there is none. */
function wayBack(file) {
  const queue = importsOf(file).map((each) => [each])
  const seen = new Set()
  for (const way of queue) {
    const last = way.at(-1)
    if (last === file) return way
    if (seen.has(last)) continue
    seen.add(last)
    queue.push(...importsOf(last).map((each) => [...way, each]))
  }
  return undefined
}

const circles = {
  meta: { type: 'problem', schema: [] },
  create: (context) => ({
    Program(node) {
      const way = wayBack(context.filename)
      const names = way?.map((each) => path.basename(each)).join(', ')
      if (way)
        context.report({
          node,
          message: `It imports itself by way of ${names}. Move what both need below both.`,
        })
    },
  }),
}

export default { rules: { floors: rule, circles } }
