/** The largest picture that is taken, in megapixels. A phone's 108 and a 70 MP scan fit; see docs/architecture.md. */
export const MAX_MEGAPIXELS = 110;
