/** What events about the organisation itself name as their subject. */
export const ORGANISATION = { subjectKind: 'settings', subjectId: '00000000-0000-4000-8000-000000000001' } as const
