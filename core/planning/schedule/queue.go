package schedule

// queue holds tasks by their rank.
type queue struct {
	rank  []float64
	tasks []int
}

func (q *queue) Len() int { return len(q.tasks) }

func (q *queue) Less(a, b int) bool {
	i, j := q.tasks[a], q.tasks[b]
	return q.rank[i] < q.rank[j] || q.rank[i] == q.rank[j] && i < j
}

func (q *queue) Swap(a, b int) { q.tasks[a], q.tasks[b] = q.tasks[b], q.tasks[a] }

func (q *queue) Push(x any) { q.tasks = append(q.tasks, x.(int)) }

func (q *queue) Pop() any {
	last := q.tasks[len(q.tasks)-1]
	q.tasks = q.tasks[:len(q.tasks)-1]
	return last
}
