/** Bytes used and available in this browser; undefined where it does not tell. */
export async function storageSpace(): Promise<{ used: number; available: number } | undefined> {
  const estimate = await navigator.storage?.estimate?.()
  if (estimate?.usage === undefined || estimate.quota === undefined) return undefined
  return { used: estimate.usage, available: estimate.quota }
}

/** Asks the browser not to clear our storage on its own. */
export async function askForPersistence(): Promise<void> {
  await navigator.storage?.persist?.().catch(() => false)
}
