/** Loaded before a program that is measured: tells, as it ends, what it took. */
const { writeSync } = require('node:fs');

process.on('exit', () => {
  const { userCPUTime, systemCPUTime, maxRSS } = process.resourceUsage();
  writeSync(3, JSON.stringify({ seconds: (userCPUTime + systemCPUTime) / 1e6, megabytes: maxRSS / 1024 }));
});
