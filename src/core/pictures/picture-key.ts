/** A picture by the name under which it is decoded: its file, and its page where that is not the first. */
export function pictureKey({
  picture,
  page = 0,
}: {
  readonly picture: string;
  readonly page?: number | undefined;
}): string {
  return page === 0 ? picture : `${picture}#${page}`;
}

/** File and page of such a name. */
export function fromPictureKey(key: string): { readonly picture: string; readonly page: number } {
  const [picture = '', page = '0'] = key.split('#');
  return { picture, page: Number(page) };
}
