import { defineEventHandler, getRouterParam, setResponseHeader, setResponseStatus } from 'h3'
import { BOOKS } from '#server/supplier/books'
import { makeEpub } from '#server/supplier/makeEpub'

export default defineEventHandler(event => {
  const book = BOOKS.find(b => b.id === getRouterParam(event, 'bookId'))
  if (!book) {
    setResponseStatus(event, 404)
    return 'No such book is on this shelf.'
  }
  setResponseHeader(event, 'content-type', 'application/epub+zip')
  return Buffer.from(makeEpub(book))
})
