/** The priority (setpriority(2)) of what is never in a hurry: whatever else the machine has to do comes first. */
export const PATIENT = 15;
