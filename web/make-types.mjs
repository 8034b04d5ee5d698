// Makes the client's types from the schemas the server checks with, so that no type is written twice.
import { mkdirSync, readdirSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { compileFromFile } from "json-schema-to-typescript";

const here = dirname(fileURLToPath(import.meta.url));
const schemas = join(here, "../schemas");
const out = join(here, "src/api/generated");
mkdirSync(out, { recursive: true });
const options = {
  ignoreMinAndMaxItems: true,
  bannerComment: "/* Made by web/make-types.mjs from schemas/. */",
  cwd: schemas,
};

for (const name of ["song", "wire"])
  writeFileSync(join(out, `${name}.ts`), await compileFromFile(join(schemas, `${name}.json`), options));
const names = readdirSync(join(schemas, "edits"))
  .filter((file) => file.endsWith(".json"))
  .map((file) => file.slice(0, -5))
  .sort();
for (const name of names) {
  writeFileSync(
    join(out, `${name}.ts`),
    await compileFromFile(join(schemas, "edits", `${name}.json`), { ...options, cwd: join(schemas, "edits") }),
  );
}
const type = (name) =>
  `${name
    .split("_")
    .map((word) => word[0].toUpperCase() + word.slice(1))
    .join("")}Input`;
const lines = [
  options.bannerComment,
  ...names.map((name) => `import type { ${type(name)} } from "./${name}";`),
  "",
  "export interface EditInputs {",
  ...names.map((name) => `  ${name}: ${type(name)};`),
  "}",
];
writeFileSync(join(out, "edits.ts"), `${lines.join("\n")}\n`);
console.log(`types of the song and of ${names.length} edits made`);
