-- Homes are found by what stands in them and by what their standard said of them; words lead to a home one by one, in order.
ALTER TABLE home_terms ADD KEY by_home (home_id, term);
ALTER TABLE units ADD KEY by_model_visit (model, visit_id);
-- How often rules break, by the month of sealing and by model.
ALTER TABLE visits ADD KEY by_seal (sealed_at, id);
