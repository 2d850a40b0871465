import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";

const BASE =
  /node_modules\/(react|react-dom|scheduler|@tanstack\/(query-core|react-query)|openapi-fetch|wouter|regexparam|use-sync-external-store)\/|src\/(api\/client|lib\/(again|reach|store|session|units|words|waters|time|clock)|offline\/(db|outbox|overlay|persist|worker|useOuting)\.|ui\/(controls|UndoBar|Sheet)\.tsx|components\/(states|strings|Shell|Notices))/;

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
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
