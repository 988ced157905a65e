import { build, installPackages } from './lib.mjs';

await installPackages({ whole: false });
await build();
