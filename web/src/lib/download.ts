/** Hands a text over as a file. */
export function download(fileName: string, text: string, type = 'application/json'): void {
  const address = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement('a');
  link.href = address;
  link.download = fileName;
  link.click();
  URL.revokeObjectURL(address);
}
