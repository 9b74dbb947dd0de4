/** The nonce without which the server's policy lets no style into the page; undefined while developing. */
export const styleNonce = document.querySelector<HTMLMetaElement>('meta[name=csp-nonce]')?.content
