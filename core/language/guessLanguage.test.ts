import { describe, expect, it } from 'vitest'
import { guessLanguage } from './guessLanguage'
import { isLanguage, LANGUAGES, languageCodes } from './languages'

const TEXTS = {
  de: 'Der Hafen war im Winter geschlossen, und die Schiffe lagen vor der Mole im Eis fest. Erst im Frühjahr, wenn die Fahrrinne wieder offen war, kamen die Waren in die Stadt, und mit ihnen die Nachrichten aus den anderen Häfen.',
  fr: 'Le port était fermé pendant tout l’hiver, et les navires attendaient devant la digue que la glace se rompe. Au printemps seulement, les marchandises arrivaient dans la ville, et avec elles les nouvelles des autres ports.',
  es: 'El puerto estaba cerrado durante el invierno, y los barcos esperaban delante del muelle a que se rompiera el hielo. Solo en primavera llegaban las mercancías a la ciudad, y con ellas las noticias de los otros puertos.',
  pl: 'Port był zamknięty przez całą zimę, a statki czekały przed falochronem, aż lód puści. Dopiero na wiosnę towary przychodziły do miasta, a razem z nimi wiadomości z innych portów, które wszyscy chcieli usłyszeć.',
  el: 'Το λιμάνι ήταν κλειστό.',
  he: 'הנמל היה סגור בחורף',
  ko: '항구는 겨울에 닫혀 있었다.',
  ja: '港は冬の間、閉じていた。',
} as const

describe('the language of a text', () => {
  it.each(Object.entries(TEXTS))('is %s', (language, text) => {
    expect(guessLanguage(text)).toBe(language)
  })
  it('is English in English', () => {
    expect(
      guessLanguage(
        'A breakwater is an institution before it is a wall, and the wall is the cheapest part of it. Whoever keeps it has to be paid, watched and replaced, and each of these is written down by somebody whose own pay is not.',
      ),
    ).toBe('en')
  })
  it.each(['De haven was in de winter gesloten.', 'Гавань была закрыта.', 'Yes.', '', '1612, 1634; 12 %'])(
    'is not guessed where it is not clear: %s',
    text => {
      expect(guessLanguage(text)).toBeNull()
    },
  )
  it('is one that can be chosen', () => {
    expect(languageCodes).toHaveLength(Object.keys(LANGUAGES).length)
    expect(isLanguage('de')).toBe(true)
    for (const other of ['xx', '', null, 'constructor', 'de"><script>']) expect(isLanguage(other)).toBe(false)
  })
})
