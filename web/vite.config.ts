import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), tailwindcss()],
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
