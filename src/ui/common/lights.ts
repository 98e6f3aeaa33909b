// House lights: the light theme, remembered on this machine.

const KEY = 'house-lights'

const apply = (on: boolean): void => {
  document.documentElement.dataset.lights = on ? 'on' : 'off'
}

export const restoreLights = (): void => apply(localStorage.getItem(KEY) === 'on')

export function switchLights(): void {
  const on = document.documentElement.dataset.lights !== 'on'
  localStorage.setItem(KEY, on ? 'on' : 'off')
  apply(on)
}
