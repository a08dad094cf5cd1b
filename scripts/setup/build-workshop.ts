import { copyFile, mkdir } from 'node:fs/promises'
import { join } from 'node:path'
import { build } from 'esbuild'

/** Bundles the workshop (`server/files/workshop-process.ts`) into one script beside the server's own. */
export async function buildWorkshop(root: string, directory: string): Promise<void> {
  await build({
    entryPoints: [join(root, 'server/files/workshop-process.ts')],
    outfile: join(directory, 'workshop.mjs'),
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    minify: true,
    // Packages inside that are CommonJS ask for Node's own modules in their way.
    banner: { js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);" },
    logLevel: 'warning',
  })
  // The colours that a PDF for archives names lie beside whoever writes them.
  const colours = 'data/sRGB_IEC61966_2_1.icc'
  await mkdir(join(directory, 'data'), { recursive: true })
  await copyFile(join(root, 'node_modules/pdfkit/js', colours), join(directory, colours))
}
