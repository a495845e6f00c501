// Packs what vite built: the program carries its pages compressed by brotli, and unpacks them for
// browsers that do not take that.
import { readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, constants } from "node:zlib";

const dist = new URL("../web/dist/", import.meta.url).pathname;
const large = 1 << 20; // the best quality takes seconds a megabyte

for (const name of readdirSync(dist, { recursive: true })) {
  const file = join(dist, name);
  if (!/\.(js|css|wasm|svg)$/.test(name) || !statSync(file).isFile()) continue;
  const bytes = readFileSync(file);
  const quality = bytes.length > large ? 9 : 11;
  const packed = brotliCompressSync(bytes, {
    params: { [constants.BROTLI_PARAM_QUALITY]: quality, [constants.BROTLI_PARAM_LGWIN]: 22, [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length },
  });
  if (packed.length >= bytes.length) continue;
  writeFileSync(`${file}.br`, packed);
  rmSync(file);
}
