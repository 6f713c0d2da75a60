/** One student's source report. */
export interface DemoReport { readonly by: string, readonly title: string, readonly text: string }
