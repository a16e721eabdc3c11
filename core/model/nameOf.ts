/** What a treatment is called where it is spoken of: its name, or its code while the trial is blind. */
export type NameOf = (treatmentId: string) => string;
