import { fileRoute } from '#server/http/fileRoute'
import * as filesEndpoints from '#shared/files/endpoints'

export default fileRoute(filesEndpoints.readFile, file => ({
  stored: file,
  type: file.type,
  name: file.name,
}))
