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

type Modules = { getModuleInfo: (id: string) => { importers: readonly string[] } | null };

/** Whether a module is imported, directly or not, by another; what is fetched later does not count. */
function needs(root: string) {
  const known = new Map<string, boolean>();
  function needed(id: string, modules: Modules): boolean {
    if (id.endsWith(root)) return true;
    const found = known.get(id);
    if (found !== undefined) return found;
    known.set(id, false);
    const result = modules.getModuleInfo(id)?.importers.some((one) => needed(one, modules)) ?? false;
    known.set(id, result);
    return result;
  }
  return needed;
}

const byPage = needs("/src/main.tsx");
const bySound = needs("/src/sound/probe.ts");

/** What the page needs at once is one script, what it shares with whoever measures the sound another; what several
 * panels share is a third, and each panel is one. */
const GROUPS = [
  {
    debugName: "sound",
    name: (id: string, all: Modules) => (bySound(id, all) && !id.endsWith("probe.ts") ? "sound" : null),
  },
  { debugName: "page", name: (id: string, all: Modules) => (byPage(id, all) ? "page" : null) },
  {
    debugName: "panels",
    name: (id: string, all: Modules) => (byPage(id, all) || !several(id, all) ? null : "panels"),
  },
];

const several = (id: string, all: Modules) =>
  (id.includes("/web/src/") || id.includes("lucide")) && (all.getModuleInfo(id)?.importers.length ?? 0) > 1;

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
      output: {
        codeSplitting: { groups: GROUPS },
        entryFileNames: ({ name }) => (name === "devices" ? "assets/devices.js" : "assets/[name]-[hash].js"),
      },
    },
  },
});
