export * from './people'
export * from './planning'
export * from './contributing'
export * from './marking'
