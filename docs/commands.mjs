// Writes docs/guide/commands.md from the table of commands in web/src/commands/; with --print it prints the table as JSON.
// Run from anywhere: node docs/commands.mjs
import { writeFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { createServer } from "vite";

const place = (path) => fileURLToPath(new URL(path, import.meta.url));

// The table asks the page for nothing until a command runs; these stand for what its modules look at while they load.
const nothing = () => {};
const anything = () =>
  new Proxy(nothing, {
    get: (_, key) => (key === Symbol.toPrimitive ? () => "" : anything()),
    apply: anything,
    construct: anything,
    set: () => true,
  });
Object.assign(globalThis, {
  window: globalThis,
  document: anything(),
  getComputedStyle: () => ({ fontSize: "16px" }),
  matchMedia: () => ({ matches: false, addEventListener: nothing }),
  localStorage: { getItem: () => null, setItem: nothing },
  location: { pathname: "/", search: "" },
  addEventListener: nothing,
  removeEventListener: nothing,
});

const vite = await createServer({
  configFile: place("../web/vite.config.ts"),
  root: place("../web"),
  server: { middlewareMode: true, hmr: false, ws: false, watch: null },
  optimizeDeps: { noDiscovery: true, include: [] },
  appType: "custom",
  logLevel: "error",
});
const { KEYED, EVERYWHERE } = await vite.ssrLoadModule("/src/commands/index.ts");
const { KEYS, keyText } = await vite.ssrLoadModule("/src/state/keyMap.ts");
const given = Object.assign({}, ...Object.values(KEYS));
const table = KEYED.map(([group, of, list]) => ({
  group,
  of,
  commands: list.map(({ id, words, what, key, held }) => ({ id, words, what, key, text: key ? keyText(given[key]) : (held ?? "") })),
}));
const page = `# What can be done, and by which key

Made from the table that the menus, the bar beside what is chosen, the finder and the list under ? are drawn from. Keys can be given otherwise there. A right press, or a finger that rests, on a track, a knob, a device, a marker, a note, a point or a region opens what can be done to just that; what cannot be done just then says why.
${table
  .map(
    ({ group, commands }) => `
## ${group}

| command | what it does | key |
|---|---|---|
${commands.map(({ words, what, text }) => `| ${words} | ${what} | ${text} |`).join("\n")}
`,
  )
  .join("")}
## Everywhere

| keys | what they do |
|---|---|
${EVERYWHERE.map(([keys, what]) => `| ${keys} | ${what} |`).join("\n")}
`;
if (process.argv.includes("--print")) process.stdout.write(JSON.stringify({ table, keys: Object.keys(given), page }));
else writeFileSync(place("guide/commands.md"), page);
await vite.close();
process.exit(0);
