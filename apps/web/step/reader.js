/* Reads one STEP file beside the page, once for each way it is asked for, with the kernel that stands beside this file. It may evaluate code, as that kernel must: so it has a
   worker and a policy of its own, and hands back numbers alone. */
/* global importScripts, occtimportjs */
importScripts('occt-import-js.js');

self.onmessage = async ({ data: { bytes, ways } }) => {
  try {
    const quiet = { print: () => {}, printErr: () => {}, locateFile: (name) => `/step/${name}` };
    const kernel = await occtimportjs(quiet);
    for (const how of ways) {
      const { success, meshes } = kernel.ReadStepFile(bytes, how);
      const plain = meshes.map(({ name, attributes, index, brep_faces }) => ({
        name,
        attributes: { position: { array: attributes.position.array } },
        index: { array: index.array },
        brep_faces: brep_faces.map(({ first, last }) => ({ first, last })),
      }));
      self.postMessage({ success, meshes: plain });
      if (!success) return;
    }
  } catch {
    self.postMessage({ success: false, meshes: [] });
  }
};
