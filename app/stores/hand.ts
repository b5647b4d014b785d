/** What is in hand: the chosen part and copy, and the drive that the keys go to. */
import { defineStore } from 'pinia'

export const useHand = defineStore('hand', () => {
  const part = ref<string | null>(null)
  const instance = ref(0)
  /** `part.property` of the entry in hand. */
  const drive = ref<string | null>(null)

  function choose(id: string | null, copy = 0): void {
    part.value = id
    instance.value = copy
    if (drive.value && id !== null && !drive.value.startsWith(`${id}.`)) drive.value = null
  }

  function take(key: string | null): void {
    drive.value = key
    if (key) {
      const id = key.slice(0, key.indexOf('.'))
      if (part.value !== id) choose(id)
      drive.value = key
    }
  }

  return { part, instance, drive, choose, take }
})
