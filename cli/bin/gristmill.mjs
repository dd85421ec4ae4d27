#!/usr/bin/env node
// The command runs from its TypeScript sources; tsx is registered here so that no build step is needed.
import { register } from 'tsx/esm/api';

register();
await import('../src/main.ts');
