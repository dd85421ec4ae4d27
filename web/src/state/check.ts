import { JointCheck } from '@gristmill/core';

/** What has been found readable in this tab: by an edit, and so not again by the save that follows. */
export const jointCheck = new JointCheck();
