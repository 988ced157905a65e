import { build, installPackages } from './lib.mjs';

installPackages();
build();
