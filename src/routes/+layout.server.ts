export const load = ({ locals }) => ({ language: locals.language });
