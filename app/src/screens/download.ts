/** Fetches a file of the server the way the browser does it: by a link. */
export function download(address: string): void {
  const link = document.createElement('a');
  link.href = address;
  link.download = '';
  document.body.append(link);
  link.click();
  link.remove();
}
