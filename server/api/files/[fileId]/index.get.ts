import { fileRoute } from '#server/http/fileRoute'

export default fileRoute(file => ({ bytes: file.bytes, type: file.type, name: file.name }))
