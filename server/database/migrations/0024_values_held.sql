-- What a column may hold, the database holds too.
ALTER TABLE persons ADD CONSTRAINT persons_mail_choice_known CHECK (mail_choice IN ('atOnce', 'daily', 'never'));
--> statement-breakpoint
ALTER TABLE seminars ADD CONSTRAINT seminars_state_known CHECK (state IN ('active', 'archived'));
--> statement-breakpoint
ALTER TABLE enrolments ADD CONSTRAINT enrolments_role_known CHECK (role IN ('instructor', 'assistant', 'student', 'observer'));
--> statement-breakpoint
ALTER TABLE enrolments ADD CONSTRAINT enrolments_state_known CHECK (state IN ('active', 'withdrawn', 'practice'));
--> statement-breakpoint
ALTER TABLE joining_codes ADD CONSTRAINT joining_codes_role_known CHECK (role IN ('instructor', 'assistant', 'student', 'observer'));
--> statement-breakpoint
ALTER TABLE contributions ADD CONSTRAINT contributions_type_known CHECK (type IN ('post', 'reply', 'entry', 'comment', 'note', 'question', 'pageVersion', 'review', 'term'));
--> statement-breakpoint
ALTER TABLE contributions ADD CONSTRAINT contributions_state_known CHECK (state IN ('draft', 'scheduled', 'awaitingApproval', 'shown', 'withdrawn'));
--> statement-breakpoint
ALTER TABLE rubric_criteria ADD CONSTRAINT rubric_criteria_scope_known CHECK (scope IN ('own', 'group'));
--> statement-breakpoint
ALTER TABLE rubric_criteria ADD CONSTRAINT rubric_criteria_suggest_from_known CHECK (suggest_from IN ('timeliness'));
--> statement-breakpoint
ALTER TABLE activities ADD CONSTRAINT activities_kind_known CHECK (kind IN ('discussion', 'journal', 'blog', 'wiki', 'reading', 'review', 'lexicon', 'exitNote'));
--> statement-breakpoint
ALTER TABLE activities ADD CONSTRAINT activities_state_known CHECK (state IN ('draft', 'scheduled', 'published'));
--> statement-breakpoint
ALTER TABLE activities ADD CONSTRAINT activities_scale_known CHECK (scale IN ('points', 'percent', 'letter', 'complete', 'none'));
--> statement-breakpoint
ALTER TABLE phases ADD CONSTRAINT phases_name_known CHECK (name IN ('write', 'respond', 'revise', 'review', 'mark', 'return'));
--> statement-breakpoint
ALTER TABLE notices ADD CONSTRAINT notices_kind_known CHECK (kind IN ('published', 'changed', 'contribution', 'letter', 'review', 'marking', 'group', 'prompt', 'message', 'closing'));
--> statement-breakpoint
ALTER TABLE mails ADD CONSTRAINT mails_state_known CHECK (state IN ('waiting', 'sent', 'refused'));
--> statement-breakpoint
ALTER TABLE marks ADD CONSTRAINT marks_state_known CHECK (state IN ('open', 'held', 'returned'));
--> statement-breakpoint
ALTER TABLE marks ADD CONSTRAINT marks_taken_from_known CHECK (taken_from IN ('consensus'));
--> statement-breakpoint
ALTER TABLE second_marks ADD CONSTRAINT second_marks_state_known CHECK (state IN ('asked', 'done', 'agreed'));
--> statement-breakpoint
ALTER TABLE texts ADD CONSTRAINT texts_form_known CHECK (form IN ('paper', 'article', 'recording'));
--> statement-breakpoint
ALTER TABLE allocations ADD CONSTRAINT allocations_source_known CHECK (source IN ('dealt', 'byHand', 'extra', 'self', 'practice'));
--> statement-breakpoint
ALTER TABLE allocations ADD CONSTRAINT allocations_state_known CHECK (state IN ('owed', 'begun', 'in'));
--> statement-breakpoint
ALTER TABLE marks ADD CONSTRAINT marks_points_within CHECK (points >= 0);
--> statement-breakpoint
ALTER TABLE marks ADD CONSTRAINT marks_override_points_within CHECK (override_points >= 0);
--> statement-breakpoint
ALTER TABLE criterion_marks ADD CONSTRAINT criterion_marks_points_within CHECK (points >= 0);
--> statement-breakpoint
ALTER TABLE activities ADD CONSTRAINT activities_points_within CHECK (points >= 0);
--> statement-breakpoint
ALTER TABLE activities ADD CONSTRAINT activities_pass_percent_within CHECK (pass_percent BETWEEN 0 AND 100);
--> statement-breakpoint
ALTER TABLE categories ADD CONSTRAINT categories_weight_percent_within CHECK (weight_percent BETWEEN 0 AND 100);
--> statement-breakpoint
ALTER TABLE categories ADD CONSTRAINT categories_drop_lowest_within CHECK (drop_lowest >= 0);
--> statement-breakpoint
ALTER TABLE rubric_criteria ADD CONSTRAINT rubric_criteria_weight_within CHECK (weight >= 0);
--> statement-breakpoint
ALTER TABLE rubric_levels ADD CONSTRAINT rubric_levels_points_within CHECK (points >= 0);
--> statement-breakpoint
ALTER TABLE contributions ADD CONSTRAINT contributions_words_within CHECK (words >= 0);
--> statement-breakpoint
ALTER TABLE contributions ADD CONSTRAINT contributions_sources_within CHECK (sources >= 0 AND figures >= 0);
--> statement-breakpoint
ALTER TABLE files ADD CONSTRAINT files_size_within CHECK (size >= 0);
