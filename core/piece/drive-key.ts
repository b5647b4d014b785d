/** Keys of what is driven: `p1.rotation` is a part's property, `~s1` a signal. */
const SIGNAL = '~'

export const propertyKey = (part: string, property: string): string => `${part}.${property}`
export const signalKey = (id: string): string => SIGNAL + id
export const isSignal = (key: string): boolean => key.startsWith(SIGNAL)

/** The signal's id in a signal's key. */
export const drivenSignal = (key: string): string => key.slice(SIGNAL.length)
/** The id of the part in a property's key; empty in a signal's. */
export const drivenPart = (key: string): string => key.slice(0, Math.max(0, key.indexOf('.')))
/** The property's name in its key; empty in a signal's. */
export const drivenProperty = (key: string): string => {
  const dot = key.indexOf('.')
  return dot < 0 ? '' : key.slice(dot + 1)
}
/** Part and property of a property's key. */
export const splitDriveKey = (key: string): readonly [part: string, property: string] => [
  drivenPart(key),
  drivenProperty(key),
]
