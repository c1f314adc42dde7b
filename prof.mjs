import fs from 'node:fs';

const f = fs
  .readdirSync('/tmp/prof')
  .filter((x) => x.endsWith('.cpuprofile'))
  .map((x) => '/tmp/prof/' + x)
  .sort((a, b) => fs.statSync(b).size - fs.statSync(a).size)[0];
const p = JSON.parse(fs.readFileSync(f));
const self = new Map();
const byId = new Map(p.nodes.map((n) => [n.id, n]));
p.samples.forEach((s, i) => {
  const n = byId.get(s);
  const k = n.callFrame.functionName + ' ' + n.callFrame.url.slice(-20);
  self.set(k, (self.get(k) ?? 0) + p.timeDeltas[i]);
});
const tot = [...self.values()].reduce((a, b) => a + b);
for (const [k, v] of [...self].sort((a, b) => b[1] - a[1]).slice(0, +process.argv[2] || 28))
  console.log(((v / tot) * 100).toFixed(1) + '%', k);
