import { findings } from '@/core';
import { generatedNetwork } from './generated-network';
const plan = generatedNetwork(5000);
const from = Date.UTC(2026, 10, 25);
const t0 = performance.now();
const f = findings(plan, from, from + Number(process.argv[2]) * 86400000);
console.log(f.length, performance.now() - t0);
