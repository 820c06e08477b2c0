/** Hands a file to the person, as a link to it would. */
export function download(blob: Blob, fileName: string): void {
  const address = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = address;
  link.download = fileName;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 1000);
}

/**
 * A font as a rule of a style sheet that holds it, for drawings that leave the app.
 *
 * @param file its address
 * @param range of the characters that it has; left out for all
 */
export async function asFontFace(family: string, file: string, range?: string): Promise<string> {
  const blob = await (await fetch(file)).blob();
  const data = (await asDataAddress(blob)).replace(/^data:[^;]*/u, 'data:font/woff2');
  const characters = range ? `;unicode-range:${range}` : '';
  return `@font-face{font-family:'${family}';font-weight:200 900;src:url(${data}) format('woff2')${characters}}`;
}

/** A drawing as a PNG. */
export async function pictureOf(svg: Blob, width: number, height: number): Promise<Blob> {
  const image = new Image();
  image.src = await asDataAddress(svg);
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(width);
  canvas.height = Math.round(height);
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) => {
    canvas.toBlob((blob) => {
      if (blob) resolve(blob);
      else reject(new Error('The browser could not make a picture of this drawing.'));
    }, 'image/png');
  });
}

const asDataAddress = (blob: Blob): Promise<string> =>
  new Promise((resolve) => {
    const reader = new FileReader();
    reader.onload = () => resolve(typeof reader.result === 'string' ? reader.result : '');
    reader.readAsDataURL(blob);
  });
