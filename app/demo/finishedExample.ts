/** The demo bench’s finished trial, for whoever wants to see one: its name alone, without what makes the bench. */
export const FINISHED_EXAMPLE = 'demo-trial-cor';
