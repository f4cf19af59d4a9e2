import { readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import type { Plugin } from "vite";

const home = join(
	dirname(fileURLToPath(import.meta.url)),
	"node_modules",
	"pdfjs-dist",
);
const parts = ["cmaps", "standard_fonts", "wasm", "iccs"];

/** Lays what the reader of PDF fetches by name (character maps, standard fonts, decoders) beside the scripts, under its version, so that it can be kept for good. */
export function pdfParts(): Plugin {
	const { version } = JSON.parse(
		readFileSync(join(home, "package.json"), "utf8"),
	) as { version: string };
	const at = `assets/pdf-${version}`;
	return {
		name: "pdf-parts",
		config: () => ({ define: { __PDF_PARTS__: JSON.stringify(`/${at}/`) } }),
		generateBundle() {
			for (const part of parts)
				for (const name of readdirSync(join(home, part)))
					this.emitFile({
						type: "asset",
						fileName: `${at}/${part}/${name}`,
						source: readFileSync(join(home, part, name)),
					});
		},
	};
}
