export {
  changeName,
  changePassword,
  createToken,
  endOtherSessions,
  endSession,
  listPeople,
  listSessions,
  listTokens,
  nameChangeSchema,
  passwordChangeSchema,
  PEOPLE_AT_ONCE,
  resetPassword,
  resumePerson,
  revokeToken,
  suspendPerson,
  TOKEN_DAYS,
  TOKEN_SCOPES,
  tokenSchema,
} from './account';
export {
  changeRole,
  CLASS_ROLES,
  closeCode,
  deleteClass,
  leaveClass,
  listDeletedClasses,
  removeMember,
  renewCode,
  restoreClass,
  roleChangeSchema,
} from './classes';
export { isFor, pathOf } from './endpoint';
export type { AnswerOf, Asker, BodyOf, Endpoint, Method, ParamsOf, QueryOf } from './endpoint';
export { ENDPOINTS } from './all';
