import { readFileSync } from "node:fs";
import { Resvg } from "@resvg/resvg-js";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";
import { VitePWA } from "vite-plugin-pwa";

const BASE =
  /node_modules\/(react|react-dom|scheduler|@tanstack\/(query-core|react-query)|openapi-fetch|wouter|regexparam|use-sync-external-store)\/|src\/(api\/client|lib\/(again|reach|store|session|units|words|waters|time|clock)|offline\/(db|outbox|overlay|persist|worker|useOuting)\.|ui\/(controls|UndoBar|Sheet)\.tsx|components\/(states|strings|Shell|Notices))/;

/** The marks as PNG beside the drawings, for phones that take no SVG as an icon; drawn at the build from the same drawing. */
function icons(): Plugin {
  const drawn = {
    "mark-192.png": 192,
    "mark-512.png": 512,
    "mark-180.png": 180,
    "mark-maskable-512.png": 512,
  };
  return {
    name: "icons",
    generateBundle() {
      for (const [fileName, width] of Object.entries(drawn)) {
        const from = fileName.includes("maskable") || width === 180 ? "mark-maskable" : "mark";
        const svg = readFileSync(`public/${from}.svg`, "utf8");
        const source = new Resvg(svg, { fitTo: { mode: "width", value: width } }).render().asPng();
        this.emitFile({ type: "asset", fileName, source });
      }
    },
  };
}

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    icons(),
    VitePWA({
      strategies: "injectManifest",
      srcDir: "src",
      filename: "sw.ts",
      injectRegister: false,
      injectManifest: {
        globPatterns: ["**/*.{js,css,html,svg,woff2}"],
        globIgnores: ["sw.js"],
        // The server gives the page at its root, with the nonce that its styles need.
        manifestTransforms: [
          (entries) => ({
            manifest: entries.map((one) => (one.url === "index.html" ? { ...one, url: "/" } : one)),
          }),
        ],
      },
      manifest: {
        id: "/",
        name: "Still Thread",
        short_name: "Still Thread",
        description: "Where the trout feed, and where your fly is.",
        start_url: "/fish",
        display: "standalone",
        background_color: "#eef3f1",
        theme_color: "#eef3f1",
        icons: [
          { src: "/mark.svg", sizes: "any", type: "image/svg+xml", purpose: "any" },
          { src: "/mark-maskable.svg", sizes: "any", type: "image/svg+xml", purpose: "maskable" },
          { src: "/mark-192.png", sizes: "192x192", type: "image/png", purpose: "any" },
          { src: "/mark-512.png", sizes: "512x512", type: "image/png", purpose: "any" },
          { src: "/mark-maskable-512.png", sizes: "512x512", type: "image/png", purpose: "maskable" },
        ],
      },
    }),
  ],
  build: {
    assetsInlineLimit: 0,
    manifest: true,
    target: "es2022",
    modulePreload: { polyfill: false },
    rolldownOptions: {
      optimization: { inlineConst: true }, // a limit named is its number in the page
      output: {
        // What every page takes is one file: many small ones pack worse.
        // Their names stand in the first load: a short hash is as good.
        chunkFileNames: "assets/[name]-[hash:7].js",
        codeSplitting: { groups: [{ name: "base", test: BASE }] },
      },
    },
  },
  server: { proxy: { "/api": "http://127.0.0.1:8000" } },
});
