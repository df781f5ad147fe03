const LONGEST = 1_600;

/** A picture as the card keeps it: smaller, drawn anew so that nothing of where and when it was taken stays. */
export async function drawnAnew(file: Blob): Promise<string> {
  const image = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST / Math.max(image.width, image.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.max(1, Math.round(image.width * scale));
  canvas.height = Math.max(1, Math.round(image.height * scale));
  canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
  const address = canvas.toDataURL("image/jpeg", 0.8);
  return address.slice(address.indexOf(",") + 1);
}
