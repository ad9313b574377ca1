/**
 * Which tabs of this browser are open. Each holds a lock under its own name for as long as it lives, and
 * the browser lets go of it with the tab, however that ends; a tab that was duplicated takes another name.
 */
const KEY = 'clear-steps tab'
const LOCK = 'clear-steps tab '

let own = 'only'
let open: ReadonlySet<string> = new Set()

/** The name of this tab; it outlives a reload. */
export function thisTab(): string {
  return own
}

/** Whether another tab of that name was open when it was last looked for. */
export function isOpen(tab: string): boolean {
  return tab !== own && open.has(tab)
}

/** Give this tab its name, before anything asks for it. */
export async function beginTab(): Promise<void> {
  own = remembered() ?? crypto.randomUUID()
  if (navigator.locks && !(await held(own))) {
    own = crypto.randomUUID() // a copy of a tab that is still open
    await held(own)
  }
  try {
    sessionStorage.setItem(KEY, own)
  } catch {
    // The browser keeps nothing: the name goes with the page, as its drafts do.
  }
  await lookForTabs()
}

/** Look which tabs are open now. */
export async function lookForTabs(): Promise<void> {
  const locks = (await navigator.locks?.query())?.held ?? []
  open = new Set(locks.flatMap(({ name }) => (name?.startsWith(LOCK) ? [name.slice(LOCK.length)] : [])))
}

function remembered(): string | null {
  try {
    return sessionStorage.getItem(KEY)
  } catch {
    return null
  }
}

/** Hold the lock of a name until the page is gone; false where another tab has it. */
function held(tab: string): Promise<boolean> {
  return new Promise((resolve) => {
    void navigator.locks.request(LOCK + tab, { ifAvailable: true }, (lock) => {
      resolve(lock !== null)
      return lock === null ? undefined : new Promise(() => {})
    })
  })
}
