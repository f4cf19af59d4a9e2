import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { pdfParts } from "./pdfParts.ts";

export default defineConfig({
	plugins: [react(), tailwindcss(), pdfParts()],
	build: {
		outDir: "../src/Gesamt.Web/wwwroot",
		emptyOutDir: true,
		// small fonts as data: addresses would break the content security policy
		assetsInlineLimit: 0,
		rolldownOptions: {
			input: { studio: "studio.html", client: "client.html" },
		},
	},
	html: { cspNonce: "__NONCE__" },
	server: { proxy: { "/api": "http://127.0.0.1:5080" } },
});
