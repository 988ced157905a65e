import { build, installPackages } from './lib.mjs';

await installPackages();
await build();
