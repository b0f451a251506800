import { execFileSync } from 'node:child_process';

/** Resident memory of the browser that this process started, from the system's process list. */
export function browserBytes(): number {
  const rows = execFileSync('ps', ['-eo', 'pid=,ppid=,rss=,comm='], { encoding: 'utf8' })
    .trim()
    .split('\n')
    .map((row) => row.trim().split(/\s+/))
    .map(([pid, parent, rssKb, name]) => ({ pid: Number(pid), parent: Number(parent), rssKb: Number(rssKb), name }));
  const family = new Set([process.pid]);
  for (let grew = true; grew;) {
    const more = rows.filter((r) => family.has(r.parent) && !family.has(r.pid));
    grew = more.length > 0;
    for (const { pid } of more) family.add(pid);
  }
  return rows.reduce((sum, r) => sum + (family.has(r.pid) && /chrom/.test(r.name) ? r.rssKb * 1024 : 0), 0);
}
