/** What a page or a script of its own needs in front of its piece: `OpenTide.mount`. */
export { mount } from './mount.ts'
