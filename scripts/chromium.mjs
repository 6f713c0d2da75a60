// Debian's Chromium, for tests, pictures and measurements.
import { existsSync } from 'node:fs'
import { installPackage } from './system.mjs'

// the shell draws no window, and takes two thirds of the processor time of the whole browser
export const SHELL = '/usr/bin/chromium-headless-shell'
const BROWSER = '/usr/bin/chromium'

/** How it is launched: the program without a window, where it is installed; nothing is asked of the network. */
export const launchOptions = () => ({
  executablePath: existsSync(SHELL) ? SHELL : BROWSER,
  args: [
    '--no-sandbox',
    '--disable-dev-shm-usage',
    '--disable-gpu',
    '--disable-background-networking',
    '--disable-component-update',
    '--no-first-run',
  ],
})

/** Installs Chromium where it is missing: the whole browser, where Debian has no package of the shell. */
export function ensureChromium() {
  if (existsSync(SHELL)) return
  try {
    installPackage('chromium-headless-shell')
  } catch (error) {
    if (!existsSync(BROWSER)) installPackage('chromium')
    console.log(`${error.message} The whole browser is used.`)
  }
}
