/** Has the browser keep what an address answers with. */
export function saveFrom(url: string, name = ''): void {
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  document.body.appendChild(link);
  link.click();
  link.remove();
}

/** Hands a file to the browser to keep. */
export function saveFile(name: string, data: string | Uint8Array, type: string): void {
  const url = URL.createObjectURL(new Blob([data as BlobPart], { type }));
  saveFrom(url, name);
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** Asks for one file and reads it as text; undefined when nothing was chosen. */
export async function pickText(accept: string): Promise<{ name: string; text: string } | undefined> {
  const file = await pickFile(accept);
  return file && { name: file.name, text: await file.text() };
}

/** Asks for one file and reads it whole; undefined when nothing was chosen. */
export async function pickBytes(accept: string): Promise<{ name: string; bytes: Uint8Array } | undefined> {
  const file = await pickFile(accept);
  return file && { name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) };
}

/** Asks for one file; undefined when nothing was chosen. */
export function pickFile(accept: string): Promise<File | undefined> {
  return new Promise((resolve) => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = accept;
    input.style.display = 'none';
    input.setAttribute('data-testid', 'file-input');
    input.onchange = () => {
      const file = input.files?.[0];
      input.remove();
      resolve(file);
    };
    input.oncancel = () => {
      input.remove();
      resolve(undefined);
    };
    document.body.appendChild(input);
    input.click();
  });
}
