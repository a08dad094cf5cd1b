import { readdirSync, readFileSync, statSync } from 'node:fs'
import { dirname, join, relative, resolve } from 'node:path'
import ts from 'typescript'
import { parse } from 'vue/compiler-sfc'

/** The files that a rule looks at: their paths from the root of the checkout, with their texts. */
export type Sources = ReadonlyMap<string, string>

export const LAYERS = ['core', 'shared', 'server', 'app', 'stand-ins', 'demo', 'scripts', 'tests'] as const
export type Layer = (typeof LAYERS)[number]
export const layerOf = (path: string): Layer => path.split('/')[0] as Layer
export const isTest = (path: string): boolean => path.endsWith('.test.ts')

/** Every file of our own code in the checkout. */
export function readSources(root: string): Sources {
  const below = (dir: string): string[] =>
    readdirSync(dir).flatMap((name) => {
      const path = join(dir, name)
      if (name === 'node_modules' || name === 'migrations') return []
      return statSync(path).isDirectory() ? below(path) : /\.(ts|vue|mjs)$/.test(name) ? [path] : []
    })
  return new Map(
    LAYERS.flatMap((layer) => below(join(root, layer))).map((path) => [
      relative(root, path),
      readFileSync(path, 'utf8'),
    ]),
  )
}

export interface Import {
  readonly from: string
  readonly to: string
  readonly names: readonly string[]
}

/** The script of a file: of a component, what stands in its script blocks. */
function scriptOf(path: string, text: string): string {
  if (!path.endsWith('.vue')) return text
  const { descriptor } = parse(text, { ignoreEmpty: false })
  return [descriptor.script?.content, descriptor.scriptSetup?.content].filter((c) => c !== undefined).join('\n')
}

export function parseScript(path: string, text: string): ts.SourceFile {
  return ts.createSourceFile(path, scriptOf(path, text), ts.ScriptTarget.ESNext, true, ts.ScriptKind.TS)
}

/** What a file imports of our own files, read with TypeScript's parser: types too, and what comes when it is used. */
export function importsOf(path: string, sources: Sources): Import[] {
  const found: Import[] = []
  const add = (spec: ts.Expression | undefined, names: readonly string[]) => {
    if (spec === undefined || !ts.isStringLiteral(spec)) return
    const to = resolveSpec(path, spec.text, sources)
    if (to !== null) found.push({ from: path, to, names })
  }
  const walk = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node)) {
      const bindings = node.importClause?.namedBindings
      const named =
        bindings !== undefined && ts.isNamedImports(bindings)
          ? bindings.elements.map((e) => (e.propertyName ?? e.name).text)
          : []
      add(node.moduleSpecifier, named)
    } else if (ts.isExportDeclaration(node)) add(node.moduleSpecifier, [])
    else if (ts.isCallExpression(node) && node.expression.kind === ts.SyntaxKind.ImportKeyword)
      add(node.arguments[0], [])
    else if (ts.isImportTypeNode(node) && ts.isLiteralTypeNode(node.argument))
      add(node.argument.literal as ts.StringLiteral, [])
    ts.forEachChild(node, walk)
  }
  walk(parseScript(path, sources.get(path) ?? ''))
  return found
}

function resolveSpec(from: string, spec: string, sources: Sources): string | null {
  const path = spec.startsWith('#core/')
    ? `core/${spec.slice(6)}`
    : spec.startsWith('#shared/')
      ? `shared/${spec.slice(8)}`
      : spec.startsWith('~/')
        ? `app/${spec.slice(2)}`
        : spec.startsWith('.')
          ? relative(resolve('/'), resolve('/', dirname(from), spec))
          : null
  if (path === null) return null
  return ['', '.ts', '.mjs', '.vue'].map((ending) => path + ending).find((p) => sources.has(p)) ?? null
}

const read = new Map<string, { readonly text: string; readonly files: number; readonly found: Import[] }>()

/** Every import there is; a file is parsed again only when it, or what it may find, changed. */
export function allImports(sources: Sources): Import[] {
  return [...sources].flatMap(([path, text]) => {
    const before = read.get(path)
    if (before?.text === text && before.files === sources.size) return before.found
    const found = importsOf(path, sources)
    read.set(path, { text, files: sources.size, found })
    return found
  })
}

/** The area of a file: its folder below the layer, below components and composables in the app, else its own name. */
export function areaOf(path: string): string {
  const parts = path.split('/')
  const name = (parts.at(-1) ?? '').replace(/\.(test\.)?(ts|vue|mjs)$/, '')
  if (parts[0] === 'app') {
    if (parts[1] === 'components' || parts[1] === 'composables') return parts[2] ?? ''
    return parts[1] === 'pages' ? (parts.length > 3 ? (parts[2] ?? '') : name) : ''
  }
  if (parts[0] === 'shared') return parts[1] === 'contract' || parts[1] === 'words' ? name : ''
  return parts.length > 2 ? (parts[1] ?? '') : name
}
