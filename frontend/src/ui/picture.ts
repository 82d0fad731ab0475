/** A drawing as an address that an image takes. */
export const picture = (svg: string) => `data:image/svg+xml;utf8,${encodeURIComponent(svg)}`;
