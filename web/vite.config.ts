import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";

// What makes the page installable. Its worker keeps the page itself; the last song is kept by the page (src/api/kept.ts).
const installable = VitePWA({
  registerType: "prompt",
  injectRegister: null,
  filename: "service-worker.js",
  useCredentials: true,
  manifest: {
    id: "/",
    name: "Kind Satchel",
    short_name: "Satchel",
    description: "Moves inside clips, and what they make with the lanes of the song.",
    start_url: "/",
    display: "standalone",
    background_color: "#fdfaf2",
    theme_color: "#f5eddd",
    categories: ["music"],
    icons: [
      { src: "/icons/satchel-192.png", sizes: "192x192", type: "image/png" },
      { src: "/icons/satchel-512.png", sizes: "512x512", type: "image/png" },
      { src: "/icons/satchel-maskable-512.png", sizes: "512x512", type: "image/png", purpose: "maskable" },
    ],
  },
  workbox: {
    globPatterns: ["**/*.{js,css,html,svg,png,woff2}"],
    cleanupOutdatedCaches: true,
    clientsClaim: true,
    navigateFallback: null,
    // The server's page comes first, so that a new build is seen at once; while the server is away, the one kept.
    runtimeCaching: [
      {
        urlPattern: ({ request, url }) => request.mode === "navigate" && /^\/(songs\/\d+)?$/.test(url.pathname),
        handler: "NetworkOnly",
        options: { precacheFallback: { fallbackURL: "index.html" } },
      },
    ],
  },
});

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), tailwindcss(), installable],
  build: {
    outDir: "../public",
    emptyOutDir: true,
    assetsInlineLimit: 0,
    reportCompressedSize: false,
    chunkSizeWarningLimit: 900,
    rollupOptions: {
      // The sound of the devices by itself, for whoever renders or measures it.
      input: { index: `${import.meta.dirname}/index.html`, devices: `${import.meta.dirname}/src/sound/probe.ts` },
      preserveEntrySignatures: "strict",
      output: { entryFileNames: ({ name }) => (name === "devices" ? "assets/devices.js" : "assets/[name]-[hash].js") },
    },
  },
});
