/** groups/members.ts */
export const membersTexts = {
  stated: 'Not stated',
  total: 'Total',
};

/** groups/groups.ts */
export const groupsTexts = {
  changeGroup: (from: string) => `the change of the group “${from}”`,
  newGroup: (to: string) => `the new group “${to}”`,
  removalGroup: (group: string) => `the removal of the group “${group}”`,
  group: 'this group',
};
