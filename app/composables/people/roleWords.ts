/** Roles in the order in which people are listed. */
export const ROLE_ORDER = ['instructor', 'assistant', 'observer', 'student'] as const
/** What the people of a role are called together. */
export const ROLE_WORDS = {
  instructor: 'Instructors',
  assistant: 'Assistants',
  observer: 'Observers',
  student: 'Students',
} as const
