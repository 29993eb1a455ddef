/** Every worker is made here, since `import.meta` is the one thing the unit tests' module format does not know. */
export const spawnPlanWorker = (): Worker => new Worker(new URL('./plan.worker', import.meta.url), { type: 'module' });

export const spawnPdfWorker = (): Worker => new Worker(new URL('./pdf.worker', import.meta.url), { type: 'module' });
